"""Words that say nothing of a place: leaving them out of what was not understood hides nothing."""

from __future__ import annotations

from fitzle.core.spec.words.vocabulary import GLUE_WORDS

FILLING = GLUE_WORDS | frozenset(
    """
    that else otherwise form forms field fields asks ask i you we he she they me us our my their his her who
    which what there here these those some any all both either each every only or und oder et ou y o e so as if
    when where how than then but also too very well can could may might will would shall do does did done been
    being was were am get got gets let lets let's make makes made go goes give given send sent upload uploads
    uploaded uploading add added choose chosen select selected save saved saving export exported provide
    supported supports support accepted accepts accept allowed allow allows permitted formats format type types
    filetype filetypes kind kinds specs spec specification specifications requirements requirement required
    require requires guidelines guideline page site website platform app here's following follows below above
    new own one ones thing things sure ensure remember note tip tips recommended we'll you'll it'll don't don
    not no dont px pixels bytes kb mb show shows shown display displayed appear appears fit fits look looks come
    comes possible ideally ideal exactly about roughly just approx approximately ca circa can't cannot per max
    maximum min minimum x by wide tall high width height size sizes dimension dimensions weight größe
    dateiformat dateiformate bitte sie wir ihr kann können darf dürfen werden wird erlaubt zulässig unterstützt
    hochladen lade hoch format formate als für zu zum zur auf im am vom beim auch nur noch oder dein deine
    deinem ihre ihren dateien bilder votre vos votre nous vous peut peuvent formats acceptés accepté autorisés
    autorisé pris charge télécharger téléversez sous en au aux ce cette ces des ne pas plus fichiers images pour
    par sur dans su sus tu tus formatos formato aceptados aceptado permitidos permitido sube subir puede pueden
    para por en al del lo se archivos imágenes tiene tener ser
    """.split()
)
