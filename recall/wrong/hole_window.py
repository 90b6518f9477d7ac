from ovlo import drawing


@drawing
def window(nib):
    with nib.area("sienna"):  # wrong (filled-hole): with nib.area("sienna", fill_rule="evenodd"):
        nib.rectangle(160, 160)
        for dx, dy in ((-35, -35), (35, -35), (-35, 35), (35, 35)):
            with nib.lifted():
                nib.line_by(dx, dy)
            nib.rectangle(60, 60)
            with nib.lifted():
                nib.line_by(-dx, -dy)
