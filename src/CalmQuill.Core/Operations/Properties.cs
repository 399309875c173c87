using System.Globalization;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Operations;

/// <summary>The one table of registers: <see cref="OperationRules"/>, <see cref="OperationCodec"/> and what reads them go by it.</summary>
public static class Properties
{
    private const bool Yes = true,
        No = false;

    public static readonly PropertyDescriptor<string> Name = Words(
        Property.Name,
        Yes,
        Yes,
        "folder, notebook, section, page, tag, lens",
        TextRule.Name
    ) with
    {
        MayBeEmpty = false,
        IsTitle = true,
        Code = "bad-name",
    };
    public static readonly PropertyDescriptor<string> Colour = Words(
        Property.Colour,
        Yes,
        Yes,
        "folder, notebook, section, tag, lens",
        Short
    );
    public static readonly PropertyDescriptor<string> Cover = Words(Property.Cover, Yes, No, "notebook", Short);
    public static readonly PropertyDescriptor<string> Icon = Words(Property.Icon, Yes, No, "folder, lens", Short);

    /// <summary>Whether it was put into the bin; when, says the operation, and no text that a device wrote.</summary>
    public static readonly PropertyDescriptor<bool> Binned = new(Property.Binned, Yes, Yes, "anything", Time, false, _ => true);

    /// <summary>Whether it was erased from the bin, and what with it.</summary>
    public static readonly PropertyDescriptor<Erasing> Erased = new(
        Property.Erased,
        Yes,
        Yes,
        "anything",
        new TextRule(15, text => text == Erasings.Alone ? null : Time.Problem(text)),
        Erasing.None,
        text => text == Erasings.Alone ? Erasing.Alone : Erasing.WithAllInIt
    );
    public static readonly PropertyDescriptor<string> Paper = Words(
        Property.Paper,
        Yes,
        Yes,
        "notebook, page, paper of one's own",
        new TextRule(400, text => PaperText.Read(text).Refusal?.Sentence)
    ) with
    {
        Refuses = text => PaperText.Read(text).Refusal,
    };
    public static readonly PropertyDescriptor<bool> Pinned = Switch(Property.Pinned, "notebook, folder");
    public static readonly PropertyDescriptor<bool> Jot = Switch(Property.Jot, "notebook");
    public static readonly PropertyDescriptor<bool> Starred = Switch(Property.Starred, "anything, in the person's own library");
    public static readonly PropertyDescriptor<Guid?> MergedInto = Id(Property.MergedInto, Yes, No, "tag");
    public static readonly PropertyDescriptor<Guid?> LensSpace = Id(Property.LensSpace, Yes, No, "lens, in the person's own library");
    public static readonly PropertyDescriptor<Guid?> MovedTo = Id(Property.MovedTo, No, Yes, "section, page");
    public static readonly PropertyDescriptor<Guid?> Source = Id(Property.Source, Yes, No, "paper of one's own, stamp, notebook");
    public static readonly PropertyDescriptor<Guid?> Bookmarked = Id(Property.Bookmarked, Yes, No, "page, in the person's own library");
    public static readonly PropertyDescriptor<string> Rule = Words(
        Property.Rule,
        Yes,
        No,
        "lens",
        new TextRule(RuleJson.MostCharacters * 3, text => RuleJson.Read(text).Refusal?.Sentence)
    ) with
    {
        Refuses = text => RuleJson.Read(text).Refusal,
    };
    public static readonly PropertyDescriptor<string> Category = Words(
        Property.Category,
        Yes,
        No,
        "paper of one's own, stamp",
        TextRule.Name
    ) with
    {
        Code = "bad-name",
    };
    public static readonly PropertyDescriptor<int> BinDays = new(
        Property.BinDays,
        Yes,
        No,
        "the library",
        new TextRule(
            2,
            text =>
                int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var days) && Bin.Choices.Contains(days)
                    ? null
                    : Sentence.Of($"The bin keeps things for 7, 30 or 90 days, or for ever.")
        ),
        Bin.UsualDays,
        text => int.Parse(text, NumberStyles.None, CultureInfo.InvariantCulture)
    )
    {
        MayBeEmpty = false,
    };
    public static readonly PropertyDescriptor<List<(DateOnly First, DateOnly Last)>> Terms = new(
        Property.Terms,
        Yes,
        No,
        "the library",
        new TextRule(
            1_000,
            text => Span.ReadTerms(text) is null ? Sentence.Of($"A term is a first and a last day, the first not after the last.") : null
        ),
        [],
        text => Span.ReadTerms(text)!
    );
    public static readonly PropertyDescriptor<string> Planner = Words(
        Property.Planner,
        No,
        Yes,
        "notebook, page",
        new TextRule(400, text => PlannerPage.Read(text) is not null ? null : PlannerSettings.Read(text).Refusal?.Sentence)
    ) with
    {
        Refuses = text => PlannerPage.Read(text) is not null ? null : PlannerSettings.Read(text).Refusal,
    };
    public static readonly PropertyDescriptor<string> Entry = Words(
        Property.Entry,
        No,
        Yes,
        "an entry of the calendar",
        new TextRule(
            4_000,
            text => CalendarEntry.Read(default, text) is null ? Sentence.Of($"An entry of the calendar is not well formed.") : null
        )
    );
    public static readonly PropertyDescriptor<string> Turning = Words(
        Property.Turning,
        No,
        Yes,
        "notebook",
        new TextRule(
            10,
            text =>
                text is "sideways" or "down" or "seamless" ? null : Sentence.Of($"Pages turn sideways or down, or run on without a gap.")
        )
    );
    public static readonly PropertyDescriptor<string> View = Setting(Property.View, 1_000, "anything, in the person's own library");
    public static readonly PropertyDescriptor<string> JotPreset = Setting(Property.JotPreset, 1_000, "the person's own library");
    public static readonly PropertyDescriptor<string> TodayPreset = Setting(Property.TodayPreset, 1_000, "the person's own library");
    public static readonly PropertyDescriptor<string> Tray = Setting(Property.Tray, 3_900, "the person's own library, notebook");
    public static readonly PropertyDescriptor<string> Palettes = Setting(Property.Palettes, 3_900, "the person's own library");
    public static readonly PropertyDescriptor<string> Habits = Setting(Property.Habits, 3_900, "the person's own library");
    public static readonly PropertyDescriptor<string> Told = Setting(Property.Told, 16, "the person's own library");
    public static readonly PropertyDescriptor<string> Aside = Setting(Property.Aside, 3_900, "page, in the person's own library");

    public static readonly PropertyDescriptor<string> Moment = Words(Property.Moment, No, Yes, "a moment", History.Moment.Rule);

    /// <summary>All of them, by their numbers.</summary>
    public static readonly IReadOnlyDictionary<Property, PropertyDescriptor> All = new PropertyDescriptor[]
    {
        Name,
        Colour,
        Cover,
        Binned,
        Paper,
        Icon,
        Pinned,
        Jot,
        MergedInto,
        Rule,
        Erased,
        Starred,
        View,
        JotPreset,
        TodayPreset,
        BinDays,
        Terms,
        LensSpace,
        MovedTo,
        Planner,
        Entry,
        Turning,
        Source,
        Category,
        Bookmarked,
        Tray,
        Palettes,
        Habits,
        Aside,
        Told,
        Moment,
    }.ToDictionary(descriptor => descriptor.Property);

    /// <summary>How many bytes of a register's text are read at most; one that is not known here may be of a later version.</summary>
    public static int MostBytes(Property property) =>
        All.TryGetValue(property, out var descriptor) ? descriptor.Text.MostBytesRead : TextRule.MostBytesUnknown;

    private static TextRule Short =>
        new(
            40,
            text =>
                text.All(c => char.IsAsciiLetterOrDigit(c) || c == '-') ? null : Sentence.Of($"A colour, cover or icon is not well formed.")
        );

    private static PropertyDescriptor<string> Words(Property property, bool library, bool notebook, string on, TextRule rule) =>
        new(property, library, notebook, on, rule, "", text => text);

    private static PropertyDescriptor<bool> Switch(Property property, string on) =>
        new(property, Yes, No, on, TextRule.Switch, false, _ => true);

    private static TextRule Time =>
        new(
            15,
            text =>
                long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out _)
                    ? null
                    : Sentence.Of($"The time of binning is not well formed.")
        );

    private static PropertyDescriptor<Guid?> Id(Property property, bool library, bool notebook, string on) =>
        new(property, library, notebook, on, TextRule.Id, null, text => Guid.Parse(text));

    /// <summary>Its length is counted in characters, of three bytes at most.</summary>
    private static PropertyDescriptor<string> Setting(Property property, int most, string on) =>
        Words(
            property,
            Yes,
            No,
            on,
            new TextRule(
                most * 3,
                text => text.Length <= most && !text.Any(char.IsControl) ? null : Sentence.Of($"A setting is not well formed.")
            )
        );
}
