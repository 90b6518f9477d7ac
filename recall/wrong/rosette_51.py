from ovlo import drawing


def leaf(nib, size):
    for _ in range(2):
        nib.arc_right(size, 90)
        nib.right(90)


@drawing(paper="honeydew")
def seven_leaves(nib):
    nib.ink = "darkgreen"
    for _ in range(7):
        leaf(nib, 80)
        nib.right(50)  # wrong (rosette-misses-360): nib.right(360 / 7)
