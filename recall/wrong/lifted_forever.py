from ovlo import Sheet

sheet = Sheet(400, 400)
nib = sheet.new_nib()
nib.lift()
nib.forward(50)
nib.left(90)  # wrong (still-lifted): nib.left(90); nib.lower()
for _ in range(12):
    nib.forward(20)
    nib.left(30)
