from ovlo import drawing


@drawing
def gate(nib):
    nib.travel_to(-80, -40)
    nib.forward(160)
    nib.left(90)
    nib.forward(90)
    nib.left(90)
    nib.forward(120)  # wrong (not-closed): nib.forward(160)
    nib.left(90)
    nib.forward(90)
