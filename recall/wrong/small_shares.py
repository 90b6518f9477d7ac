from ovlo import Sheet

sheet = Sheet(640, 480)
nib = sheet.new_nib()
points = [(0.2, 0.1), (0.9, 0.3), (0.6, 0.8), (0.1, 0.7)]
SIZE = 1  # wrong (tiny-picture): SIZE = 200
nib.travel_to(points[-1][0] * SIZE, points[-1][1] * SIZE)
with nib.area("coral"):
    for x, y in points:
        nib.line_to(x * SIZE, y * SIZE)
    nib.line_to_start()
