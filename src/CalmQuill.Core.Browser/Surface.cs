using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>What shows a page: the items that changed and wait to be handed out to it, and which outlines it has.</summary>
internal sealed class Surface
{
    private readonly Dictionary<OpId, Form> has = [];

    public Queue<OpId> Waiting { get; } = [];

    /// <summary>All that decides an item's outline where it was made.</summary>
    private readonly record struct Form(StrokeSamples Samples, List<Interval> Visible, Pen Pen, bool Filled);

    /// <summary>The surface is painted with the item as it stands.</summary>
    public void Shows(PageItem item) => has[item.Id] = FormOf(item);

    /// <summary>Whether the surface has the item's outline already, so that only its place and colours need be said; it has it from now on.</summary>
    public bool Has(PageItem item)
    {
        if (!item.Shown || item.Visible().Count == 0)
        {
            // What is not shown is forgotten there too.
            has.Remove(item.Id);
            return false;
        }

        var form = FormOf(item);
        if (
            has.TryGetValue(item.Id, out var before)
            && ReferenceEquals(before.Samples, form.Samples)
            && ReferenceEquals(before.Visible, form.Visible)
            && before.Pen == form.Pen
            && before.Filled == form.Filled
        )
            return true;
        has[item.Id] = form;
        return false;
    }

    /// <summary>What is not known to be there any more, as while it is being rubbed out.</summary>
    public void Forget(OpId item) => has.Remove(item);

    private static Form FormOf(PageItem item) => new(item.Samples, item.Visible(), item.Pen with { Colour = 0 }, (item.Fill & 0xFF) != 0);
}
