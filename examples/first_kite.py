"""A first kite: four sides, two spars, and a tail that waves in the wind."""

from ovlo import Sheet

sheet = Sheet(640, 480, paper="aliceblue")
nib = sheet.new_nib(x=0, y=190, heading=-45)

nib.ink = "crimson"
nib.line_width = 5
corners = []
for _ in nib.full_turn(4, clockwise=True):
    corners.append(nib.position)
    nib.forward(140)

nib.ink = "slategrey"
nib.line_width = 1.5
top, right, bottom, left = corners
nib.travel_to(top)
nib.line_to(bottom)
nib.travel_to(right)
nib.line_to(left)

nib.ink = "darkorange"
nib.line_width = 3
nib.travel_to(bottom)
nib.turn_to(240)
for wave in range(4):
    for _ in range(12):
        nib.forward(4.3)
        nib.left(5 if wave % 2 == 0 else -5)

sheet.show()
