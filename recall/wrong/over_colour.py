from ovlo import drawing


@drawing
def disc(nib):
    fill = "gold"  # wrong (overwritten-value): nib.pause(1)
    fill = "tomato"
    nib.circle(80, fill=fill)
