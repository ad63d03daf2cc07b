@props (['icon', 'command', 'title', 'label' => null])
<button
    {{
        $attributes->merge([
            'class' => 'icon-button',
            'data-command' => $command,
            'title' => $title,
            'aria-label' => $label ?? trim((string) preg_replace('~\s*\([^)]*\)$|…$~u', '', $title)),
        ])
    }}
>{!! App\View\Icon::svg($icon) !!}</button>
