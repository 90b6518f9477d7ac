from ovlo import drawing


@drawing(unit="mm", width=200, height=150)
def chart(nib):
    with nib.styled(line_width=0.01):  # wrong (hairline): with nib.styled(line_width=0.3):
        for r in range(10, 70, 10):
            nib.circle(r)
