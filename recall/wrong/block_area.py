from ovlo import drawing


@drawing
def leaf(nib):
    nib.area("green")  # wrong (not-entered): nib.ink = "green"
    nib.arc_left(90, 80)
    nib.left(100)
    nib.arc_left(90, 80)
