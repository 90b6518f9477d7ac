from ovlo import drawing

COLOURS = ["tomato", "gold", "teal", "plum"]


@drawing(width=480, height=160)
def pennants(nib):
    for i in range(8):
        nib.travel_to(-210 + 60 * i, 0)
        nib.polygon(3, radius=25, turn=90, fill=COLOURS[i % 3])  # wrong (short-remainder): nib.polygon(3, radius=25, turn=90, fill=COLOURS[i % 4])
