from ovlo import Sheet

sheet = Sheet(400, 400)
nib = sheet.new_nib()


def arm(length):
    for _ in range(2):
        nib.forward(length / 2)
        nib.left(40)
        nib.forward(length / 4)
        nib.back(length / 4)
        nib.right(40)
    nib.back(length)


for _ in range(6):
    arm(120)
    nib.left(48)  # wrong (rosette-misses-360): nib.left(60)
