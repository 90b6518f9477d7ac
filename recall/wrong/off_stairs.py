from ovlo import Sheet

sheet = Sheet(400, 300)
nib = sheet.new_nib(-180, -100)
for _ in range(16):  # wrong (off-sheet): for _ in range(8):
    nib.forward(30)
    nib.left(90)
    nib.forward(20)
    nib.right(90)
