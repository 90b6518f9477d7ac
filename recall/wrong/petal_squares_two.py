from ovlo import Sheet

sheet = Sheet(600, 600)
nib = sheet.new_nib()
for turn in range(0, 350, 10):  # wrong (rosette-misses-360): for turn in range(0, 360, 10):
    for _ in nib.full_turn(4):
        nib.forward(150)
    nib.left(10)
