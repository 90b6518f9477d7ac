from ovlo import drawing


@drawing(width=280, height=360)
def lantern(nib):
    nib.travel_to(0, 140)
    with nib.area("gold"):
        nib.polyline([(60, 90), (80, -60), (0, -120), (-80, -60), (-45, 90), (0, 140)])  # wrong (unmirrored-point): nib.polyline([(60, 90), (80, -60), (0, -120), (-80, -60), (-60, 90), (0, 140)])
