from ovlo import drawing


def label(nib, words):
    with nib.lifted():
        nib.forward(20)
        nib.text(words)  # wrong (still-lifted): nib.pause(1)
    #+ nib.text(words)


@drawing
def legend(nib):
    for i, words in enumerate(["north", "south"]):
        nib.travel_to(-100, 40 * i)
        nib.circle(8, fill="teal")
        label(nib, words)
