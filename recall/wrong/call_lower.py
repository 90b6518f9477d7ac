from ovlo import drawing


@drawing
def dashes(nib):
    for _ in range(6):
        nib.lift()
        nib.forward(10)
        nib.lower  # wrong (not-called): nib.lower()
        nib.forward(20)
