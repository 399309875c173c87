using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Asides;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: a person's aside, laid over the page that it belongs to.</summary>
public static partial class AsideBridge
{
    /// <summary>Lays an aside over its page, unless it lies there, and takes along what was written at things that have moved; true when something came to lie elsewhere.</summary>
    /// <param name="aside">Handle of the aside.</param>
    /// <param name="page">Handle of the page.</param>
    [JSExport]
    public static bool Lay(int aside, int page)
    {
        var (open, under) = ((OpenPage)Session.Document(aside), Session.Document<PageDocument>(page));
        if (open.Lay?.Page != under)
        {
            open.Lay?.Lift();
            open.Lay = new AsideLay((PageDocument)open.Core, under);
        }

        return open.Lay.Follow();
    }

    /// <summary>Says of what was written here since the last call at which things of the page it was; framed operations.</summary>
    [JSExport]
    public static byte[] Anchor(int aside, double now)
    {
        var open = (OpenPage)Session.Document(aside);
        if (open.Lay is not { } lay)
            return [];
        var changes = open.TakeWritten(Session.Replica.Id).Select(lay.AnchorFor).OfType<Change.ItemsAnchored>().ToList();
        return changes.Count > 0 ? Session.PerformAll(aside, changes, now) : [];
    }
}
