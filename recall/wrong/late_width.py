from ovlo import Sheet

sheet = Sheet(300, 300)
nib = sheet.new_nib()
nib.circle(80)
nib.travel_to(0, 120)
nib.text("north", align="middle")
nib.line_width = 6  # wrong (unused-style): sheet.check()
sheet.save("ring.svg")
