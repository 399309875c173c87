using CalmQuill.Core.Ink;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>What several kinds of change hold, as bytes.</summary>
internal static class Parts
{
    public static void WritePen(ByteWriter writer, Pen pen, bool fancy)
    {
        writer.Byte((byte)pen.Kind);
        writer.Varint((ulong)pen.Width);
        writer.Fixed32(pen.Colour);
        if (!fancy)
            return;
        writer.Byte((byte)pen.Line);
        writer.Byte((byte)pen.Tip);
        writer.Signed(pen.Angle);
        writer.Signed(pen.Response);
    }

    public static Pen ReadPen(ref ByteReader reader, bool fancy)
    {
        var kind = (PenKind)reader.Byte();
        var width = reader.Varint();
        if (width > int.MaxValue)
            throw new OperationFormatException("A pen is not well formed.");
        var pen = new Pen(kind, (int)width, reader.Fixed32());
        return fancy
            ? pen with
            {
                Line = (LineStyle)reader.Byte(),
                Tip = (NibTip)reader.Byte(),
                Angle = reader.Int32(),
                Response = reader.Int32(),
            }
            : pen;
    }

    public static Box ReadBox(ref ByteReader reader)
    {
        long left = reader.Int32(),
            top = reader.Int32(),
            right = left + reader.Int32(),
            bottom = top + reader.Int32();
        if (right is < int.MinValue or > int.MaxValue || bottom is < int.MinValue or > int.MaxValue)
            throw new OperationFormatException("An area is out of range.");
        return new Box((int)left, (int)top, (int)right, (int)bottom);
    }

    /// <summary>Corners as differences to the one before.</summary>
    public static void WriteCorners(ByteWriter writer, IReadOnlyList<Corner> corners)
    {
        var before = default(Corner);
        foreach (var corner in corners)
        {
            writer.Signed(corner.X - (long)before.X);
            writer.Signed(corner.Y - (long)before.Y);
            before = corner;
        }
    }

    public static Corner[] ReadCorners(ref ByteReader reader)
    {
        var corners = new Corner[reader.Count(Shape.MostPoints, 2, "corners")];
        long x = 0,
            y = 0;
        for (var i = 0; i < corners.Length; i++)
        {
            (x, y) = (unchecked(x + reader.Signed()), unchecked(y + reader.Signed()));
            if (x is < int.MinValue or > int.MaxValue || y is < int.MinValue or > int.MaxValue)
                throw new OperationFormatException("A corner is out of range.");
            corners[i] = new Corner((int)x, (int)y);
        }

        return corners;
    }

    public static int[] ReadPressures(ref ByteReader reader)
    {
        var pressures = new int[reader.Count(PressureAlong.Most, 1, "pressures")];
        if (pressures.Length == 0)
            throw new OperationFormatException("A shape that keeps its pressure has none.");
        for (var i = 0; i < pressures.Length; i++)
            pressures[i] = (int)Math.Min(reader.Varint(), int.MaxValue);
        return pressures;
    }

    public static void WriteTransform(ByteWriter writer, Transform transform)
    {
        var (a, b, c, d, e, f) = transform;
        foreach (var number in new[] { a, b, c, d, e, f })
            writer.Signed(number);
    }

    public static Transform ReadTransform(ref ByteReader reader) =>
        new(reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32());

    public static bool ReadSwitch(ref ByteReader reader) =>
        reader.Byte() is var value and < 2
            ? value == 1
            : throw new OperationFormatException("The data holds a switch that is neither on nor off.");

    public static void WriteId(ByteWriter writer, OpId id)
    {
        writer.Fixed64(id.Replica);
        writer.Varint(id.Counter);
    }

    public static OpId ReadId(ref ByteReader reader) => new(reader.Fixed64(), reader.Varint());

    public static void WriteIds(ByteWriter writer, IReadOnlyList<OpId> ids)
    {
        writer.Varint((ulong)ids.Count);
        var before = new OpId(0, 0);
        foreach (var id in ids)
        {
            var same = id.Replica == before.Replica;
            writer.Signed(unchecked((long)((id.Counter - (same ? before.Counter : 0)) << 1) | (same ? 0L : 1L)));
            if (!same)
                writer.Fixed64(id.Replica);
            before = id;
        }
    }

    public static OpId[] ReadIds(ref ByteReader reader)
    {
        var ids = new OpId[reader.Count(OperationCodec.MostItems, 1, "items")];
        var before = new OpId(0, 0);
        for (var i = 0; i < ids.Length; i++)
        {
            var head = reader.Signed();
            var same = (head & 1) == 0;
            var counter = unchecked((ulong)(head >> 1));
            before = same ? new OpId(before.Replica, unchecked(before.Counter + counter)) : new OpId(reader.Fixed64(), counter);
            ids[i] = before;
        }

        return ids;
    }

    public static void WriteIntervals(ByteWriter writer, IReadOnlyList<Interval> intervals)
    {
        writer.Varint((ulong)intervals.Count);
        var before = 0;
        foreach (var interval in intervals)
        {
            writer.Signed(interval.Start - (long)before);
            writer.Signed(interval.End - (long)interval.Start);
            before = interval.End;
        }
    }

    public static Interval[] ReadIntervals(ref ByteReader reader)
    {
        var intervals = new Interval[reader.Count(OperationCodec.MostItems, 2, "gaps")];
        long before = 0;
        for (var i = 0; i < intervals.Length; i++)
        {
            var start = unchecked(before + reader.Signed());
            var end = unchecked(start + reader.Signed());
            if (start < int.MinValue || start > int.MaxValue || end < int.MinValue || end > int.MaxValue)
                throw new OperationFormatException("A gap is out of range.");
            intervals[i] = new Interval((int)start, (int)end);
            before = end;
        }

        return intervals;
    }
}
