from ovlo import drawing


@drawing
def sail(nib, height=180):
    nib.travel_to(-40, -90)
    with nib.area("ivory"):
        nib.line_by(0, height)
        nib.line_by(height * 0.6, -height * 0.8)  # wrong (open-border): nib.line_by(height * 0.6, -height * 0.8)
        #+ nib.line_to_start()
