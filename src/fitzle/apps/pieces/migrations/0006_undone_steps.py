"""What stood undone beyond a piece's place in its history becomes steps that were taken back one by one."""

from django.db import migrations


def carry_over(apps, _schema):
    piece_model, states = apps.get_model("pieces", "Piece"), apps.get_model("pieces", "PieceState")
    for piece in piece_model.objects.only("pk", "position").iterator():
        known = {row.position: row for row in states.objects.filter(piece=piece, position__gte=piece.position)}
        last = max(known, default=piece.position)
        if last == piece.position or piece.position not in known:
            continue
        position = last
        for undone in range(last, piece.position, -1):
            position += 1
            row = known[undone]
            states.objects.create(
                piece=piece, position=position, document=known[undone - 1].document, step=row.step,
                kind="undo", of=undone, made_by_id=row.made_by_id,
            )  # fmt: skip
        piece_model.objects.filter(pk=piece.pk).update(position=position)


class Migration(migrations.Migration):
    dependencies = [("pieces", "0005_history_of_each")]
    operations = [migrations.RunPython(carry_over, migrations.RunPython.noop)]
