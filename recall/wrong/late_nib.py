from ovlo import Sheet

sheet = Sheet()
sun = sheet.new_nib(180, 120)
ship = sheet.new_nib(-120, -60)
sun.circle(40, fill="gold")
sun.ink = "maroon"  # wrong (unused-style): ship.ink = "maroon"
ship.rectangle(160, 50)
ship.left(90)
ship.forward(120)
