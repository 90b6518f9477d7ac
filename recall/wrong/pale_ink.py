from ovlo import drawing


@drawing(paper="ivory")
def ghost(nib):
    nib.ink = "#fffef2"  # wrong (no-contrast): nib.ink = "steelblue"
    for _ in nib.full_turn(5, rounds=2):
        nib.forward(150)
