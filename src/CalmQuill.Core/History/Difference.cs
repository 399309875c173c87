using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.History;

/// <summary>What became of a thing between two moments of a page.</summary>
public enum Difference
{
    /// <summary>It is seen at neither, or alike at both.</summary>
    None,

    /// <summary>It is seen only now.</summary>
    Added,

    /// <summary>It was seen only then.</summary>
    Removed,

    /// <summary>Parts of it were rubbed out since, or came back; it lies and looks as it did.</summary>
    Rubbed,

    /// <summary>It lies elsewhere, or looks otherwise; parts may have been rubbed out too.</summary>
    Changed,
}

/// <summary>Compares things of a page then and now.</summary>
public static class Comparing
{
    private static readonly ItemField[] Fields = Enum.GetValues<ItemField>();

    /// <summary>What became of a thing.</summary>
    /// <param name="then">As it was; null where it was not there yet.</param>
    /// <param name="now">As it is.</param>
    public static Difference Of(PageItem? then, PageItem? now)
    {
        bool was = IsSeen(then),
            stands = IsSeen(now);
        if (!was && !stands)
            return Difference.None;
        if (!was || !stands)
            return was ? Difference.Removed : Difference.Added;
        if (!LiesAlike(then!, now!) || Restyled(then!, now!).Count > 0 || !ReadsAlike(then!, now!))
            return Difference.Changed;
        return then!.Visible().SequenceEqual(now!.Visible()) ? Difference.None : Difference.Rubbed;
    }

    /// <summary>Whether something of it is seen on the page.</summary>
    public static bool IsSeen(PageItem? item) => item is { Shown: true } && item.Visible().Count > 0;

    /// <summary>Whether it lies where it lay, in its size and direction.</summary>
    public static bool LiesAlike(PageItem then, PageItem now) =>
        then.Placed is null && now.Placed is null
        || (then.Placed?.Whole() ?? Ink.Transform.Identity) == (now.Placed?.Whole() ?? Ink.Transform.Identity);

    /// <summary>Whether the same stands in it, letter by letter, and looks the same.</summary>
    public static bool ReadsAlike(PageItem then, PageItem now)
    {
        if (then.Content is not WrittenContent before || now.Content is not WrittenContent after)
            return true;
        var (one, other) = (Passage.Of(before.Typed.Paragraphs()), Passage.Of(after.Typed.Paragraphs()));
        return one.Text == other.Text && one.Formats.SequenceEqual(other.Formats);
    }

    /// <summary>The fields of which another thing was written then.</summary>
    public static List<ItemField> Restyled(PageItem then, PageItem now) => [.. Fields.Where(field => then.Read(field) != now.Read(field))];
}
