from ovlo import drawing


@drawing
def plank(nib):
    with nib.area("peru"):
        nib.forward(120)
        nib.forward(20)  # wrong (empty-area): nib.left(90); nib.forward(20); nib.left(90)
        nib.back(140)  # wrong (empty-area): nib.forward(120); nib.line_to_start()
