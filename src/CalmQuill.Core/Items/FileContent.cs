using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>A file that is kept with the page: a card with what it is called, how large it is and a small sheet that says of what kind, and words under it.</summary>
public sealed class FileContent(IItemFrame frame, Change.ThingAdded added) : CaptionedContent(frame, added)
{
    /// <summary>How large a card is usually, 0.01 mm.</summary>
    public const int UsualWidth = 6_500,
        UsualHeight = 1_500;

    private const int MostName = 200,
        MostKind = 4;

    /// <summary>The card, the line round it, the small sheet on it, and what is written on that.</summary>
    private const uint Card = 0xFBF7ECFF,
        Line = 0xB9B39CFF,
        Sheet = 0x1F3D3BFF,
        Sign = 0xFBF7ECFF,
        Quiet = 0x5C6B68FF;

    /// <summary>Type of the name, of how large it is and of its kind, 0.1 pt.</summary>
    private const int NameType = 110,
        SizeType = 85,
        KindType = 75;

    /// <summary>Room around what stands on a card, 0.01 mm, and how wide its line is.</summary>
    private const int Room = 220,
        LineWidth = 15;

    private static readonly ItemField[] Fields = [ItemField.Source, ItemField.FileName, ItemField.FileSize];

    /// <summary>The file: an asset's id.</summary>
    public Guid Asset => Guid.TryParse(Read(ItemField.Source), out var asset) ? asset : Guid.Empty;

    /// <summary>What it is called.</summary>
    public string Name => Read(ItemField.FileName);

    /// <summary>How large it is, bytes; 0 where that is not known.</summary>
    public int Size => Number(ItemField.FileSize, 0);

    public override ItemKinds Kind => ItemKinds.File;

    public override Reshaping Reshaping => Reshaping.InProportion;

    public override string Words => Typed.Length > 0 ? $"{Name}\n{Typed.Text}" : Name;

    protected override Box Shows => new(0, 0, Width, Height);

    protected override IReadOnlyList<ItemField> Looks => Fields;

    protected override IReadOnlyList<Region> Below
    {
        get
        {
            var (left, top, right, bottom) = SheetBox;
            var fold = (right - left) / 3.0;
            return
            [
                new Region(Line, [Region.Box(0, 0, Width, Height)]),
                new Region(Card, [Region.Box(LineWidth, LineWidth, Width - LineWidth, Height - LineWidth)]),
                new Region(Sheet, [Region.Ring((left, top), (right - fold, top), (right, top + fold), (right, bottom), (left, bottom))]),
            ];
        }
    }

    private (double Left, double Top, double Right, double Bottom) SheetBox
    {
        get
        {
            double high = Height - 2 * Room,
                wide = Math.Min(high * 0.78, Width / 4.0);
            return (Room, Room, Room + wide, Room + high);
        }
    }

    /// <summary>Whether a file can be called so: no way to it, and nothing that cannot be read.</summary>
    public static bool IsName(string name) =>
        name.Length is > 0 and <= MostName
        && name.Trim().Length > 0
        && !name.Any(letter => letter is '/' or '\\' || char.IsControl(letter));

    /// <summary>The nearest to a name that a file can be called.</summary>
    public static string NameOf(string name)
    {
        var kept = new string([.. name.Where(letter => letter is not ('/' or '\\') && !char.IsControl(letter))]).Trim();
        kept = kept.Length > MostName ? Writing.Signs.Whole(kept[..MostName]) : kept;
        return kept.Length > 0 ? kept : "file";
    }

    /// <summary>How large a file is, in words: thousands of bytes and so on, with one decimal.</summary>
    public static string SizeOf(int bytes)
    {
        var (size, unit) = bytes switch
        {
            < 1_000 => (bytes, "B"),
            < 1_000_000 => (bytes / 1e3, "kB"),
            _ => (bytes / 1e6, "MB"),
        };
        return $"{size.ToString("0.#", CultureInfo.InvariantCulture)} {unit}";
    }

    public override IReadOnlyList<LaidText> Texts(bool shifted)
    {
        var own = OwnPlace(shifted);
        var (left, _, right, bottom) = SheetBox;
        var texts = new List<LaidText>(base.Texts(shifted));
        var kind = Label.Of(KindOf(Name) is { Length: > 0 } said ? said.ToUpperInvariant() : "…", KindType);
        Put(kind, left + Math.Max(0, (right - left - kind.Width) / 2), bottom - Room, Sign);
        var room = Width - (int)right - 2 * Room;
        Put(Label.Of(Shortened(Name, room), NameType), right + Room, Height / 2.0 - 30, Ink);
        if (Size > 0)
            Put(Label.Of(SizeOf(Size), SizeType), right + Room, Height / 2.0 + 400, Quiet);
        return texts;

        void Put(Label label, double x, double y, uint colour) =>
            texts.Add(new LaidText(label.Set, own.After(Affine.Identity.Shifted(x, y)), colour));
    }

    /// <summary>What stands behind the last point of a name; nothing where that is long.</summary>
    private static string KindOf(string name)
    {
        var point = name.LastIndexOf('.');
        return point > 0 && name.Length - point - 1 <= MostKind ? name[(point + 1)..] : "";
    }

    /// <summary>A name with as much left out as there is no room for, before what says its kind.</summary>
    private static string Shortened(string name, int room)
    {
        if (Label.Of(name, NameType).Width <= room)
            return name;
        var kind = KindOf(name);
        var fit = Searching.CountWhile(name.Length - kind.Length, length => Label.Of(With(length + 1), NameType).Width <= room);
        return With(fit);

        string With(int length) => $"{Writing.Signs.Whole(name[..length])}…{kind}";
    }
}
