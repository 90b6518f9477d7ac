from ovlo import Sheet

sheet = Sheet(400, 400)
nib = sheet.new_nib(-75, -55)
for _ in range(10):
    nib.forward(150)
    nib.left(144)  # wrong (retraced-line): nib.left(108)
