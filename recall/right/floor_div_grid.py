from ovlo import drawing


@drawing
def grid(nib, count: int = 20):
    columns = 400 // 60
    for i in range(count):
        nib.travel_to(-180 + 60 * (i % columns), 90 - 60 * (i // columns))
        nib.polygon(3 + i % 5, radius=20)
