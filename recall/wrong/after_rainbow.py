from ovlo import Sheet

sheet = Sheet(400, 260, paper="lightcyan")
nib = sheet.new_nib()
nib.line_width = 14
radius = 160
for colour in ["red", "orange", "gold", "green", "blue", "purple"]:
    nib.ink = colour
    nib.travel_to(radius, -90)
    nib.turn_to(90)
    nib.arc_left(radius, 180)
radius = radius - 14  # wrong (changed-after-loop):     radius = radius - 14
