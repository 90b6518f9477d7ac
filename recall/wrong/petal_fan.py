from ovlo import drawing


class Flower:
    def __init__(self, nib, petals):
        self.nib, self.petals = nib, petals

    def draw(self):
        for _ in range(self.petals):
            with self.nib.returning():
                self.nib.forward(90)
                self.nib.circle(14)
            self.nib.left(24)  # wrong (rosette-misses-360): self.nib.left(360 / self.petals)


@drawing
def meadow(nib):
    nib.travel_to(20, -10)
    Flower(nib, 14).draw()
