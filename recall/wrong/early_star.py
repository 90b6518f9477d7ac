from ovlo import drawing


@drawing
def star(nib):
    nib.travel_to(-90, 30)
    with nib.area("gold"):
        for _ in range(3):  # wrong (area-cut-short): for _ in range(5):
            nib.forward(180)
            nib.right(144)
    for _ in range(2):  # wrong (area-cut-short): for _ in range(0):
        nib.forward(180)
        nib.right(144)
