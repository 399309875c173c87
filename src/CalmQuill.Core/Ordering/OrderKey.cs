namespace CalmQuill.Core.Ordering;

/// <summary>Keys by which siblings are ordered: there is always one between two others, so that putting a thing somewhere changes that thing alone.</summary>
/// <remarks>
/// <para>
/// A key is compared by ordinal, and made of letters and digits. It is a row of numbers, each written so that greater ones sort later whatever their length: the
/// first sign says the sign and how many follow. Beyond both ends of what is there a number counts on, so a run grows by a digit where it becomes sixty times as
/// long; between two numbers the middle is taken; where they are neighbours, the next number in the row begins anew between them.
/// </para>
/// <para>
/// The number zero carries the mark of who put the thing there: what one device adds to what it put there itself goes on in the same row behind its mark, so that
/// the runs of two devices that knew nothing of each other stay together, one after the other.
/// </para>
/// <para>Keys of any other make are ordered among these by ordinal, too.</para>
/// </remarks>
public static class OrderKey
{
    public const int MostLength = 400;

    /// <summary>A key of more signs than this is worth laying its neighbourhood anew; see <see cref="Neighbourhood"/>.</summary>
    public const int LongLength = 120;

    private const string Digits = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz";

    /// <summary>Where the sign for zero stands; those about it are the small numbers, those beyond them say how many signs follow.</summary>
    private const int Zero = 31,
        LeastSmall = -21,
        MostSmall = 20,
        MostFollowing = 8;

    /// <summary>Signs that follow are 1 to z, so that a key never ends in 0.</summary>
    private const int Radix = 61;

    private const int MarkLength = 4;

    /// <summary>An open end goes on by so much, which leaves room for four halvings before a key has to grow.</summary>
    private const int Stride = 16;

    /// <summary>Whether a text can be a key. None ends in 0, since nothing would come between it and the same without.</summary>
    public static bool IsValid(string key) => key.Length is > 0 and <= MostLength && key[^1] != '0' && key.All(char.IsAsciiLetterOrDigit);

    /// <summary>A key after <paramref name="before"/> and ahead of <paramref name="after"/>; null stands for the open end.</summary>
    /// <param name="before">The lower neighbour.</param>
    /// <param name="after">The upper neighbour, greater than the lower.</param>
    /// <param name="device">A number of whoever puts it there: what one puts in a row stays together.</param>
    /// <exception cref="ArgumentException">The neighbours are not in order.</exception>
    public static string Between(string? before, string? after, ulong device)
    {
        if (before is not null && after is not null && string.CompareOrdinal(before, after) >= 0)
            throw new ArgumentException("The neighbours are not in order.", nameof(after));
        var mark = MarkOf(device);
        foreach (var key in Candidates(before, after, mark))
        {
            if (
                (before is null || string.CompareOrdinal(before, key) < 0)
                && (after is null || string.CompareOrdinal(key, after) < 0)
                && key[^1] != '0'
            )
                return key;
        }

        return Midpoint(before ?? "", after) + Marked(mark) + Written(1);
    }

    /// <summary>Keys that may lie between two, the better ones first.</summary>
    private static IEnumerable<string> Candidates(string? before, string? after, string mark)
    {
        if (before is null && after is null)
            yield return Written(1) + Marked(mark) + Written(1);
        var low = Own(before ?? "", mark);
        var high = Own(after ?? "", mark);
        // On in one's own row, at the outermost place that has room.
        foreach (var number in low)
        {
            yield return before![..number.At] + Written(On(number.Value, Stride));
            if (Opposite(number, before!, high, after) is { } limit && limit - number.Value > 1)
                yield return before![..number.At] + Written(Middle(number.Value, limit));
        }

        foreach (var number in high)
            yield return after![..number.At] + Written(On(number.Value, -Stride));
        // Where one's own row has no room left, between two of it.
        if (low.Count > 0)
            yield return before + Written(1);
        // Beside what somebody else put there, at the outermost place that has room.
        foreach (var number in Parsed(before ?? "", 0))
            yield return before![..number.At] + Beside(number.Value + 1, mark);
        foreach (var number in Parsed(after ?? "", 0))
            yield return after![..number.At] + Beside(number.Value - 1, mark);
        // Behind the lower one, as the first of a row of one's own.
        if (before is not null)
            yield return before + Marked(mark) + Written(1);
    }

    /// <summary>The number that stands in the upper neighbour where one stands in the lower, if all before it is the same.</summary>
    private static long? Opposite(Number number, string before, List<Number> high, string? after)
    {
        if (after is null || string.CompareOrdinal(before, 0, after, 0, number.At) != 0)
            return null;
        foreach (var other in high)
        {
            if (other.At == number.At)
                return other.IsMarked ? 0 : other.Value;
        }

        return null;
    }

    /// <summary>The numbers behind one's own mark, when that is the last. It is looked for by itself: before it may stand signs of another make.</summary>
    private static List<Number> Own(string key, string mark)
    {
        var at = key.LastIndexOf(Marked(mark), StringComparison.Ordinal);
        if (at < 0)
            return [];
        var numbers = Parsed(key, at + 1 + MarkLength);
        return numbers.Exists(number => number.IsMarked) ? [] : numbers;
    }

    private static string Beside(long value, string mark) =>
        value == 0 ? Marked(mark) + Written(1) : Written(value) + Marked(mark) + Written(1);

    /// <summary>Zero belongs to marks, so it is stepped over.</summary>
    private static long On(long value, int by) => value + by == 0 ? Math.Sign(by) : value + by;

    private static long Middle(long low, long high)
    {
        var middle = low + (high - low) / 2;
        return middle != 0 ? middle
            : high > 1 ? 1
            : -1;
    }

    /// <summary>A number of a key and where it begins.</summary>
    /// <param name="At">Its first sign.</param>
    /// <param name="Value">The number; zero for one that carries a mark.</param>
    /// <param name="Mark">The mark that it carries; null for none.</param>
    private readonly record struct Number(int At, long Value, string? Mark)
    {
        public bool IsMarked => Mark is not null;
    }

    /// <summary>The numbers of a key. Signs that are none, as in keys of another make, are passed over: what is made of them is compared before it is used.</summary>
    private static List<Number> Parsed(string key, int at)
    {
        var numbers = new List<Number>();
        while (at < key.Length)
        {
            var head = Digits.IndexOf(key[at], StringComparison.Ordinal) - Zero;
            var following =
                head > MostSmall ? head - MostSmall
                : head < LeastSmall ? LeastSmall - head
                : 0;
            if (head == 0 && at + MarkLength < key.Length)
            {
                numbers.Add(new Number(at, 0, key.Substring(at + 1, MarkLength)));
                at += 1 + MarkLength;
            }
            else if (
                head != 0
                && following <= MostFollowing
                && at + following < key.Length
                && ReadFollowing(key.AsSpan(at + 1, following)) is { } rest
            )
            {
                var value =
                    following == 0 ? head
                    : head > 0 ? MostSmall + 1 + Skipped(following) + rest
                    : LeastSmall - 1 - Skipped(following) - (Power(following) - 1 - rest);
                numbers.Add(new Number(at, value, null));
                at += 1 + following;
            }
            else
                at++;
        }

        return numbers;
    }

    private static long? ReadFollowing(ReadOnlySpan<char> signs)
    {
        long value = 0;
        foreach (var sign in signs)
        {
            var digit = Digits.IndexOf(sign, StringComparison.Ordinal) - 1;
            if (digit < 0 || value > long.MaxValue / Radix / 2)
                return null;
            value = value * Radix + digit;
        }

        return value;
    }

    private static string Written(long value)
    {
        if (value is >= LeastSmall and <= MostSmall)
            return Digits[Zero + (int)value].ToString();
        var distance = value > 0 ? value - MostSmall - 1 : LeastSmall - 1 - value;
        var following = 1;
        while (distance >= Power(following))
            distance -= Power(following++);
        var rest = value > 0 ? distance : Power(following) - 1 - distance;
        Span<char> signs = stackalloc char[following + 1];
        signs[0] = Digits[value > 0 ? Zero + MostSmall + following : Zero + LeastSmall - following];
        for (var i = following; i > 0; i--, rest /= Radix)
            signs[i] = Digits[1 + (int)(rest % Radix)];
        return new string(signs);
    }

    /// <summary>How many numbers have fewer signs following.</summary>
    private static long Skipped(int following)
    {
        long skipped = 0;
        for (var i = 1; i < following; i++)
            skipped += Power(i);
        return skipped;
    }

    private static long Power(int exponent)
    {
        long power = 1;
        for (var i = 0; i < exponent; i++)
            power *= Radix;
        return power;
    }

    private static string Marked(string mark) => Digits[Zero] + mark;

    private static string MarkOf(ulong device)
    {
        // Numbers of devices are random, but those of tests are small: SplitMix64's last step spreads them.
        device = unchecked((device ^ (device >> 30)) * 0xBF58476D1CE4E5B9);
        device = unchecked((device ^ (device >> 27)) * 0x94D049BB133111EB);
        device ^= device >> 31;
        Span<char> signs = stackalloc char[MarkLength];
        foreach (ref var sign in signs)
        {
            sign = Digits[(int)(device % 62)];
            device /= 62;
        }

        return new string(signs);
    }

    /// <summary>A key between two of any make, by halving sign by sign.</summary>
    private static string Midpoint(string before, string? after)
    {
        var key = new List<char>();
        for (var i = 0; ; i++)
        {
            var low = i < before.Length ? Digits.IndexOf(before[i], StringComparison.Ordinal) : 0;
            var high =
                after is null ? Digits.Length
                : i < after.Length ? Digits.IndexOf(after[i], StringComparison.Ordinal)
                : 0;
            if (high - low > 1)
            {
                key.Add(Digits[(low + high) / 2]);
                return new string([.. key]);
            }

            key.Add(Digits[low]);
            if (high - low == 1)
                after = null;
        }
    }
}
