from ovlo import drawing


@drawing
def target(nib):
    for radius in (20, 50, 80, 110):  # wrong (covered): for radius in (110, 80, 50, 20):
        nib.circle(radius, fill="crimson" if radius % 60 == 20 else "white")
