from ovlo import drawing


@drawing
def flash(nib):
    with nib.area("yellow"):
        nib.forward(80)
        nib.right(140)
        nib.forward(80)  # wrong (empty-area): nib.forward(80); nib.line_by(60, 10)
        nib.back(80)
        nib.left(140)
        nib.back(80)
