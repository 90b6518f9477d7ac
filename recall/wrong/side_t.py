from ovlo import drawing


@drawing(paper="oldlace")
def letter_t(nib):
    with nib.area("navy"):
        nib.travel_to(-60, 60)
        nib.forward(120)
        nib.right(90)
        nib.forward(30)
        nib.right(90)
        nib.forward(45)
        nib.left(90)
        nib.forward(90)
        nib.right(90)
        nib.forward(30)
        nib.right(90)
        nib.forward(90)
        nib.right(90)  # wrong (not-closed): nib.left(90)
        nib.forward(45)
        nib.right(90)
        nib.forward(30)
