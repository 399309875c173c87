using System.Text;

namespace CalmQuill.Core.Text;

/// <summary>The order in which people expect names: “Unit 2” before “Unit 10”.</summary>
public static class NaturalOrder
{
    /// <summary>A key that, compared character by character, gives that order: the folded name, every run of digits led by its length.</summary>
    /// <remarks>The length of a run without its leading zeros is one character from “!” on, so that more digits are more; longer runs than fit count as the longest.</remarks>
    public static string Key(string name)
    {
        var folded = Folding.Fold(name);
        var key = new StringBuilder(folded.Length + 8);
        for (var i = 0; i < folded.Length; )
        {
            if (!char.IsAsciiDigit(folded[i]))
            {
                key.Append(folded[i++]);
                continue;
            }

            var start = i;
            while (i < folded.Length && char.IsAsciiDigit(folded[i]))
                i++;
            var digits = folded[start..i].TrimStart('0');
            key.Append('0').Append((char)('!' + Math.Min(digits.Length, 90))).Append(digits);
        }

        return key.ToString();
    }
}
