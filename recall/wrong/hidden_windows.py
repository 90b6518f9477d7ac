from ovlo import drawing


def window(nib, x):
    nib.travel_to(x, 0)  # wrong (covered): nib.travel_to(x, 120)
    nib.rectangle(20, 30, fill="gold")


@drawing
def wall(nib):
    for x in (-60, 0, 60):
        window(nib, x)
    nib.travel_to(0, 0)
    nib.rectangle(200, 100, fill="firebrick")
