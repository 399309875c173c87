namespace CalmQuill.Core.Ordering;

/// <summary>Fractional index keys: there is always one between two others, so that putting a thing somewhere changes that thing alone.</summary>
/// <remarks>A key is a fraction in base 62 without its leading “0.”, written in ASCII order (0–9, A–Z, a–z) and never ending in 0. Compared by ordinal.</remarks>
public static class OrderKey
{
    public const int MostLength = 400;
    private const string Digits = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";
    private const int JitterDigits = 3;

    public static bool IsValid(string key) => key.Length is > 0 and <= MostLength && key[^1] != '0' && key.All(char.IsAsciiLetterOrDigit);

    /// <summary>A key after <paramref name="before"/> and ahead of <paramref name="after"/>; null stands for the open end.</summary>
    /// <param name="before">The lower neighbour.</param>
    /// <param name="after">The upper neighbour, greater than the lower.</param>
    /// <param name="random">Any number; it keeps keys apart that two people make at the same place.</param>
    /// <exception cref="ArgumentException">The neighbours are not in order.</exception>
    public static string Between(string? before, string? after, ulong random)
    {
        if (before is not null && after is not null && string.CompareOrdinal(before, after) >= 0)
            throw new ArgumentException("The neighbours are not in order.", nameof(after));
        return Midpoint(before ?? "", after) + Jitter(random);
    }

    /// <summary>The shortest key between two, by digit-wise halving; a run at the open end grows by one digit every few dozen steps.</summary>
    private static string Midpoint(string before, string? after)
    {
        var key = new List<char>();
        for (var i = 0; ; i++)
        {
            var low = i < before.Length ? Digits.IndexOf(before[i]) : 0;
            var high =
                after is null ? Digits.Length
                : i < after.Length ? Digits.IndexOf(after[i])
                : 0;
            if (high - low > 1)
            {
                key.Add(Digits[after is null ? Math.Min(low + 4, (low + high) / 2) : (low + high) / 2]);
                return new string([.. key]);
            }

            key.Add(Digits[low]);
            if (high - low == 1)
                after = null;
        }
    }

    private static string Jitter(ulong random)
    {
        Span<char> digits = stackalloc char[JitterDigits];
        for (var i = 0; i < JitterDigits; i++)
        {
            var last = i == JitterDigits - 1;
            digits[i] = Digits[last ? 1 + (int)(random % 61) : (int)(random % 62)];
            random /= 62;
        }

        return new string(digits);
    }
}
