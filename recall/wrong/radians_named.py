from math import pi

from ovlo import Sheet

turn = pi / 2  # wrong (radians-for-degrees): turn = 90
sheet = Sheet(300, 300)
nib = sheet.new_nib(-50, -50)
for _ in range(4):
    nib.forward(100)
    nib.left(turn)
