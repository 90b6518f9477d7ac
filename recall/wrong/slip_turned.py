from ovlo import Motif, drawing


@drawing
def two_fish(nib):
    fish = Motif.record(body)
    nib.stamp(fish)
    fish.turned(90)  # wrong (unused-result): fish = fish.turned(90)
    nib.travel_to(0, 90)
    nib.stamp(fish)


def body(nib):
    nib.ellipse(40, 16, fill="teal")
    nib.travel(40)
    nib.polygon(3, radius=14, fill="teal")
