from ovlo import Sheet

sheet = Sheet(400, 300)
nib = sheet.new_nib(-160, -100)
for _ in range(7):
    nib.forward(40)
    nib.left(90)
    nib.forward(24)
    nib.right(80)  # wrong (uneven-turns): nib.right(90)
