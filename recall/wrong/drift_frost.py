from ovlo import Sheet

sheet = Sheet(400, 400, paper="midnightblue")
nib = sheet.new_nib()
nib.ink = "azure"


def arm(nib, length):
    nib.forward(length)
    nib.left(45)
    nib.forward(length / 3)
    nib.back(length / 3)
    nib.right(90)
    nib.forward(length / 3)
    nib.back(length / 3)
    nib.left(45)
    nib.back(length - 12)  # wrong (drift): nib.back(length)


for _ in range(6):
    arm(nib, 130)
    nib.left(60)
