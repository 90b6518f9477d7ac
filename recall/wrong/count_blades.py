from ovlo import drawing


@drawing
def spinner(nib, blades=7):
    for _ in range(blades):
        nib.polygon(4, side_length=60)
        nib.left(360 / 12)  # wrong (other-count): nib.left(360 / blades)
