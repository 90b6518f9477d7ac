from ovlo import Sheet

sheet = Sheet(paper="ivory")
kite, tail = sheet.new_nib(0, 60), sheet.new_nib(0, 0)
kite.ink = "crimson"  # wrong (unused-style): tail.ink = "crimson"
kite.ink = "navy"
kite.polygon(4, radius=60)
tail.right(90)
for i in range(16):
    tail.arc_left(8, 90) if i % 2 else tail.arc_right(8, 90)
