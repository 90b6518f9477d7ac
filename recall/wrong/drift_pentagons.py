from ovlo import Sheet

sheet = Sheet(500, 500)
pen = sheet.new_nib()


def pentagon(size):
    for k in range(5):
        pen.forward(size)
        pen.right(70)  # wrong (turns-miss-360, drift): pen.right(72)


for _ in range(10):
    pentagon(80)
    pen.left(36)
