from ovlo import Sheet


class Dancer:
    def __init__(self, sheet, x):
        self.nib = sheet.new_nib(x, 0)

    def dance(self, turn):
        for _ in range(36):
            self.nib.forward(20)
            self.nib.left(turn)
            self.nib.back(8)


sheet = Sheet()
for x, turn in ((-150, 50), (150, 70)):
    Dancer(sheet, x).dance(turn)
sheet.save("dance.svg")
