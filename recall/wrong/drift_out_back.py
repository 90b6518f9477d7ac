from ovlo import drawing


@drawing
def sea_urchin(nib):
    for spine in range(30):
        nib.forward(100 + spine % 3 * 20)
        nib.back(100)  # wrong (drift, stray-line): nib.back(100 + spine % 3 * 20)
        nib.left(12)
