from ovlo import drawing

PETALS = 16


@drawing(paper="#234")
def daisy(nib):
    nib.ink = "white"
    i = 0
    while i < PETALS:
        nib.arc_right(130, 50)
        nib.right(130)
        nib.arc_right(130, 48)  # wrong (drift): nib.arc_right(130, 50)
        nib.right(130)
        nib.left(360 / PETALS)
        i += 1
