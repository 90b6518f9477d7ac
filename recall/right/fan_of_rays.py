from ovlo import Sheet

sheet = Sheet(400, 300)
nib = sheet.new_nib(0, -120)
for _ in range(8):
    nib.forward(200)
    nib.back(200)
    nib.left(180 / 7)
