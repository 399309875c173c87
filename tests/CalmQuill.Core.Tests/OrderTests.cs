using CalmQuill.Core.Ordering;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Keys by which siblings are ordered: there is always room, they stay short, and what one person puts in a row stays together.</summary>
public sealed class OrderTests
{
    private const ulong Ines = 0x1234_5678_9ABC_DEF0,
        Tobias = 0xFEDC_BA98_7654_3210;

    /// <summary>Keys as the version before this one made them, in order.</summary>
    private static readonly string[] Before = ["4abc", "8Xyz", "C0a1", "G12Z", "GzzZ1", "KQ0b", "zzz3", "zzzX8f1"];

    [Theory]
    [InlineData(1)]
    [InlineData(20_000)]
    public void Twenty_thousand_put_at_the_end_have_short_keys_whoever_puts_them(int devices)
    {
        string? last = null;
        for (var i = 0; i < 20_000; i++)
        {
            var next = OrderKey.Between(last, null, Device(i % devices));
            AssertBetween(last, next, null);
            last = next;
        }

        Assert.InRange(last!.Length, 1, 14);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(20_000)]
    public void Twenty_thousand_put_at_the_beginning_have_short_keys_whoever_puts_them(int devices)
    {
        string? first = null;
        for (var i = 0; i < 20_000; i++)
        {
            var next = OrderKey.Between(null, first, Device(i % devices));
            AssertBetween(null, next, first);
            first = next;
        }

        Assert.InRange(first!.Length, 1, 14);
    }

    [Theory]
    [InlineData(true, 1)]
    [InlineData(false, 1)]
    [InlineData(true, 20_000)]
    [InlineData(false, 20_000)]
    public void Twenty_thousand_put_beside_one_and_the_same_thing_have_short_keys(bool rightAfter, int devices)
    {
        var low = OrderKey.Between(null, null, Ines);
        var high = OrderKey.Between(low, null, Ines);
        for (var i = 0; i < 20_000; i++)
        {
            var next = OrderKey.Between(low, high, Device(i % devices));
            AssertBetween(low, next, high);
            if (rightAfter)
                high = next;
            else
                low = next;
        }

        Assert.InRange((rightAfter ? high : low).Length, 1, 40);
    }

    [Fact]
    public void Two_thousand_put_inward_by_turns_need_about_a_bit_each()
    {
        var low = OrderKey.Between(null, null, Ines);
        var high = OrderKey.Between(low, null, Ines);
        for (var i = 0; i < 2_000; i++)
        {
            var next = OrderKey.Between(low, high, Ines);
            AssertBetween(low, next, high);
            if (i % 2 == 0)
                low = next;
            else
                high = next;
        }

        Assert.InRange(Math.Max(low.Length, high.Length), 1, 400);
    }

    [Fact]
    public void What_two_devices_put_in_one_place_apart_stays_together_wherever_the_place_is() =>
        Gen.Select(Grown, Gen.Int[0, 1_000], Gen.Int[1, 30], Gen.Int[1, 30], Gen.Bool)
            .Sample(
                (keys, place, ofInes, ofTobias, forwards) =>
                {
                    place %= keys.Count + 1;
                    var (low, high) = (place > 0 ? keys[place - 1] : null, place < keys.Count ? keys[place] : null);
                    var own = Run(low, high, ofInes, Device(5), forwards);
                    var theirs = Run(low, high, ofTobias, Device(6), forwards);
                    var owners = own.Select(key => (key, 'I'))
                        .Concat(theirs.Select(key => (key, 'T')))
                        .OrderBy(entry => entry.key, StringComparer.Ordinal)
                        .Select(entry => entry.Item2)
                        .ToList();
                    // One change of hands, not several.
                    Assert.Equal(1, owners.Zip(owners.Skip(1)).Count(pair => pair.First != pair.Second));
                },
                iter: 2_000
            );

    [Fact]
    public void Wherever_anybody_puts_things_there_is_room_between_keys_of_this_make_and_the_one_before() =>
        Gen.Select(Gen.Bool, Gen.Select(Gen.Int[0, 1_000_000], Gen.Int[0, 4]).Array[1, 120])
            .Sample(
                (isOld, puts) =>
                {
                    var keys = isOld ? Before.ToList() : [];
                    foreach (var (place, who) in puts)
                    {
                        var at = place % (keys.Count + 1);
                        var (low, high) = (at > 0 ? keys[at - 1] : null, at < keys.Count ? keys[at] : null);
                        var key = OrderKey.Between(low, high, Device(who));
                        AssertBetween(low, key, high);
                        keys.Insert(at, key);
                    }

                    Assert.Equal(keys.Order(StringComparer.Ordinal), keys);
                },
                iter: 5_000
            );

    [Fact]
    public void Any_two_well_formed_keys_have_one_between_them() =>
        Gen.Select(AnyKey, AnyKey, Gen.ULong)
            .Where((a, b, _) => a != b)
            .Sample(
                (a, b, device) =>
                {
                    var (low, high) = string.CompareOrdinal(a, b) < 0 ? (a, b) : (b, a);
                    AssertBetween(low, OrderKey.Between(low, high, device), high);
                    AssertBetween(null, OrderKey.Between(null, low, device), low);
                    AssertBetween(high, OrderKey.Between(high, null, device), null);
                },
                iter: 50_000
            );

    [Fact]
    public void Neighbours_out_of_order_are_refused() => Assert.Throws<ArgumentException>(() => OrderKey.Between("B", "B", 1));

    [Fact]
    public void A_place_never_runs_out_since_its_neighbourhood_is_laid_anew()
    {
        // By turns inward from ever new devices, which costs most.
        var siblings = new List<(Guid Id, string Order)> { (Guid.NewGuid(), "B"), (Guid.NewGuid(), "C") };
        var random = new Random(5);
        var laidAnew = 0;
        for (var i = 0; i < 5_000; i++)
        {
            var at = siblings.Count / 2 + (i % 2 == 0 ? 0 : 1);
            var put = Neighbourhood.Of(siblings, at, (ulong)random.NextInt64());
            Assert.InRange(put.Order.Length, 1, OrderKey.LongLength);
            Assert.True(put.Laid.Count <= Neighbourhood.MostLaid);
            laidAnew += put.Laid.Count > 0 ? 1 : 0;
            var fresh = put.Laid.ToDictionary(laid => laid.Id, laid => laid.Order);
            var wanted = siblings.Select(sibling => sibling.Id).ToList();
            var id = Guid.NewGuid();
            wanted.Insert(at, id);
            siblings = [.. siblings.Select(sibling => (sibling.Id, fresh.GetValueOrDefault(sibling.Id, sibling.Order))), (id, put.Order)];
            siblings.Sort((a, b) => string.CompareOrdinal(a.Order, b.Order));
            Assert.Equal(wanted, siblings.Select(sibling => sibling.Id));
        }

        Assert.InRange(laidAnew, 1, 1_000);
    }

    [Fact]
    public void Between_two_things_of_one_key_there_is_room_as_well()
    {
        var siblings = Enumerable.Range(1, 40).Select(i => (Id: new Guid(i, 0, 0, new byte[8]), Order: i < 35 ? "B" : "C")).ToList();
        var put = Neighbourhood.Of(siblings, 20, Ines);
        var fresh = put.Laid.ToDictionary(laid => laid.Id, laid => laid.Order);
        var id = new Guid(99, 0, 0, new byte[8]);
        var ordered = siblings
            .Select(sibling => (sibling.Id, Order: fresh.GetValueOrDefault(sibling.Id, sibling.Order)))
            .Append((Id: id, put.Order))
            .OrderBy(sibling => sibling.Order, StringComparer.Ordinal)
            .ThenBy(sibling => sibling.Id)
            .Select(sibling => sibling.Id)
            .ToList();
        Assert.Equal(20, ordered.IndexOf(id));
        Assert.Equal(siblings.Select(sibling => sibling.Id), ordered.Where(one => one != id));
    }

    /// <summary>A list that several people grew, some of it with keys of the make before.</summary>
    private static readonly Gen<List<string>> Grown = Gen.Select(
            Gen.Int[0, Before.Length],
            Gen.Select(Gen.Int[0, 1_000], Gen.Int[0, 3]).Array[0, 30]
        )
        .Select(
            (old, puts) =>
            {
                var keys = Before.Take(old).ToList();
                foreach (var (place, who) in puts)
                {
                    var at = place % (keys.Count + 1);
                    keys.Insert(at, OrderKey.Between(at > 0 ? keys[at - 1] : null, at < keys.Count ? keys[at] : null, Device(who)));
                }

                return keys;
            }
        );

    private static readonly Gen<string> AnyKey = Gen.Char["0123456789ABCVWXYZabcxyz"]
        .Array[1, 12]
        .Select(signs => new string(signs).TrimEnd('0'))
        .Where(OrderKey.IsValid);

    /// <summary>Things put in a row, each after the one before, or each ahead of it.</summary>
    private static List<string> Run(string? low, string? high, int count, ulong device, bool forwards)
    {
        var keys = new List<string>();
        for (var i = 0; i < count; i++)
        {
            var key = OrderKey.Between(low, high, device);
            AssertBetween(low, key, high);
            keys.Add(key);
            if (forwards)
                low = key;
            else
                high = key;
        }

        return keys;
    }

    private static ulong Device(int i) => unchecked(((ulong)i + 1) * 0x9E37_79B9_7F4A_7C15);

    private static void AssertBetween(string? low, string key, string? high)
    {
        Assert.True(OrderKey.IsValid(key), $"{key} is no key");
        Assert.True(low is null || string.CompareOrdinal(low, key) < 0, $"{key} is not after {low}");
        Assert.True(high is null || string.CompareOrdinal(key, high) < 0, $"{key} is not before {high}");
    }
}
