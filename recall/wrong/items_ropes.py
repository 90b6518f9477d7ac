from ovlo import Sheet, ramp

sheet = Sheet(640, 300)
nib = sheet.new_nib(-250, 0)
shades = ramp("navy", "skyblue", 8)
nib.line_width = 5
for shade in shades:
    nib.ink = shades[0]  # wrong (unused-loop-value): nib.ink = shade
    nib.circle(20)
    nib.travel(60)
