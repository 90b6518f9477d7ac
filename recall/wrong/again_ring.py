from ovlo import drawing


@drawing
def target(nib):
    nib.circle(80, fill="crimson")
    nib.circle(40)
    nib.circle(40)  # wrong (drawn-again): nib.circle(20)
