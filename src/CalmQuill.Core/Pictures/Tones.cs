namespace CalmQuill.Core.Pictures;

/// <summary>How bright a picture is, and how far its light and its dark lie apart, each from −100 to 100; 0 is as it was taken.</summary>
/// <remarks>
/// A channel from 0 to 1 becomes (v − ½)·<see cref="Slope"/> + ½ + brightness/100, cut off at both ends: a straight line, which a PDF's decode array
/// (ISO 32000-1 §8.9.5.2) and an SVG's linear transfer (Filter Effects 1, feComponentTransfer) know as well, so that a picture is changed nowhere and
/// looks the same everywhere.
/// </remarks>
public readonly record struct Tones(int Brightness, int Contrast)
{
    public const int Most = 100;

    public bool IsPlain => Brightness == 0 && Contrast == 0;

    /// <summary>At −100 all is one grey, at 100 light and dark lie three times as far apart.</summary>
    public double Slope => Contrast <= 0 ? 1 + Contrast / 100.0 : 1 + Contrast / 50.0;

    /// <summary>What 0 becomes.</summary>
    public double Intercept => 0.5 - 0.5 * Slope + Brightness / 100.0;

    /// <summary>What each value of a channel becomes, 0 to 255.</summary>
    public byte[] Table()
    {
        var table = new byte[256];
        for (var i = 0; i < table.Length; i++)
            table[i] = (byte)Math.Clamp(Math.Round(i * Slope + Intercept * 255, MidpointRounding.AwayFromZero), 0, 255);
        return table;
    }
}
