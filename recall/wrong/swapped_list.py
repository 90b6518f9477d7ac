from ovlo import drawing

WINDOWS = [(20, -250), (20, -150), (-40, 150), (-40, 250)]


@drawing(width=640, height=200)
def facade(nib):
    nib.rectangle(620, 180)
    for x, y in WINDOWS:  # wrong (off-sheet): for y, x in WINDOWS:
        nib.travel_to(x, y)
        nib.rectangle(30, 40, fill="gold")
