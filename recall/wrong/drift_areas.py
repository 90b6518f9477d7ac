from ovlo import drawing


@drawing(paper="#eef6ff")
def sails(nib):
    for i in range(6):
        with nib.area("salmon" if i % 2 else "teal"):
            nib.forward(120)
            nib.left(120)
            nib.forward(120)
            nib.left(120)
            nib.forward(105)  # wrong (drift, not-closed): nib.forward(120)
            nib.left(120)
        nib.left(60)
