from ovlo import drawing


@drawing(width=320, height=240)
def leaf(nib, length=150):
    nib.travel_to(-70, -40)
    with nib.area("seagreen"):
        nib.arc_left(length, 60)
        nib.left(100)  # wrong (open-border): nib.left(120)
        nib.arc_left(length, 60)
