from ovlo import drawing


@drawing
def map_label(nib):
    for i in range(12):
        nib.travel_to(-200, -110 + 20 * i)
        nib.line_to(200, -100 + 20 * i)
    nib.travel_to(0, 0)
    nib.rectangle(120, 40, fill="white", outline=False)
    nib.text("Marrow Bay", align="middle", baseline="middle")
