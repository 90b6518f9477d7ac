from ovlo import drawing


@drawing(paper="mistyrose")
def sail(nib):
    with nib.area("white"):
        nib.arc_left(120, 90)
        nib.left(90)
        nib.forward(120)
    nib.left(90)  # wrong (area-cut-short):     nib.left(90)
    nib.forward(120)  # wrong (area-cut-short):     nib.forward(120)
