using System.Globalization;

namespace CalmQuill.Core.Art;

/// <summary>Contrast of colours by WCAG 2.2 (relative luminance and contrast ratio), and colours that keep it. Colours are 0xRRGGBBAA.</summary>
public static class Colours
{
    /// <summary>The ratio of the lighter to the darker luminance: 1 for equal colours, 21 for black on white.</summary>
    public static double Contrast(uint one, uint other)
    {
        double a = Luminance(one),
            b = Luminance(other);
        return (Math.Max(a, b) + 0.05) / (Math.Min(a, b) + 0.05);
    }

    public static bool IsDark(uint colour) => Luminance(colour) < 0.18;

    /// <summary>The wished colour, mixed with black or white only as far as is needed to stand out from a ground by a ratio.</summary>
    public static uint StandingOut(uint wished, uint ground, double ratio)
    {
        var towards = IsDark(ground) ? 0xFFFFFFFFu : 0x000000FFu;
        for (var share = 0; share <= 100; share += 2)
        {
            var mixed = Mix(wished, towards, share / 100.0);
            if (Contrast(mixed, ground) >= ratio)
                return mixed;
        }

        return towards;
    }

    /// <summary>A colour as fields and looks hold it: <c>rrggbbaa</c>.</summary>
    public static uint Read(string text) => uint.Parse(text, NumberStyles.HexNumber, CultureInfo.InvariantCulture);

    /// <summary>A colour of which so many hundredths are left.</summary>
    public static uint Thinned(uint colour, int share) => (colour & ~0xFFu) | (uint)((colour & 0xFF) * share / 100);

    /// <summary>One colour with a share of another, channel by channel, opaque.</summary>
    public static uint Mix(uint one, uint other, double share)
    {
        uint Channel(int shift) => (uint)Math.Round(((one >> shift) & 0xFF) * (1 - share) + ((other >> shift) & 0xFF) * share) << shift;
        return Channel(24) | Channel(16) | Channel(8) | 0xFF;
    }

    public static double Luminance(uint colour)
    {
        static double Linear(uint channel)
        {
            var value = channel / 255.0;
            return value <= 0.04045 ? value / 12.92 : Math.Pow((value + 0.055) / 1.055, 2.4);
        }

        return 0.2126 * Linear(colour >> 24) + 0.7152 * Linear((colour >> 16) & 0xFF) + 0.0722 * Linear((colour >> 8) & 0xFF);
    }
}
