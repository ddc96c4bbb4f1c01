"""The SVG elements and attributes that are kept (SVG 1.1 second edition, static drawing only)."""

FORBIDDEN = frozenset(
    """
    animate animateColor animateMotion animateTransform audio embed feImage foreignObject handler iframe listener
    object script set video
    """.split()
)
ELEMENTS = frozenset(
    """
    a circle clipPath defs desc ellipse feBlend feColorMatrix feComponentTransfer feComposite feDropShadow feFlood
    feFuncA feFuncB feFuncG feFuncR feGaussianBlur feMerge feMergeNode feMorphology feOffset filter g image line
    linearGradient marker mask path pattern polygon polyline radialGradient rect stop style svg switch symbol text
    textPath title tspan use
    """.split()
)
FILTER_ELEMENTS = frozenset(name for name in ELEMENTS if name.startswith("fe"))
ATTRIBUTES = frozenset(
    """
    amplitude baseline-shift class clip-path clip-rule clipPathUnits color color-interpolation color-
    interpolation-filters cx cy d display dominant-baseline dx dy edgeMode enable-background exponent fill fill-
    opacity fill-rule filter filterUnits flood-color flood-opacity font-family font-size font-style font-variant
    font-weight fr fx fy gradientTransform gradientUnits height id image-rendering in in2 intercept isolation k1
    k2 k3 k4 lengthAdjust letter-spacing marker marker-end marker-mid marker-start markerHeight markerUnits
    markerWidth mask maskContentUnits maskUnits mix-blend-mode mode offset opacity operator orient overflow paint-
    order pathLength patternContentUnits patternTransform patternUnits points preserveAspectRatio primitiveUnits r
    radius refX refY result rx ry shape-rendering slope spreadMethod startOffset stdDeviation stop-color stop-
    opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap stroke-linejoin stroke-miterlimit stroke-
    opacity stroke-width style tableValues text-anchor textLength transform type values vector-effect version
    viewBox visibility width word-spacing x x1 x2 y y1 y2
    """.split()
)
