<?php

declare(strict_types=1);

$folders = ['app', 'bench', 'bootstrap', 'config', 'core', 'database', 'demo', 'routes', 'tests'];
$files = PhpCsFixer\Finder::create()
    ->in(array_map(static fn (string $folder): string => __DIR__.'/'.$folder, $folders))
    ->exclude('cache')
    ->append([__DIR__.'/bin/shelf', __FILE__]);

return (new PhpCsFixer\Config)->setUnsupportedPhpVersionAllowed(true)->setRiskyAllowed(true)->setFinder($files)->setRules([
    '@PSR12' => true,
    'declare_strict_types' => true,
    'array_syntax' => ['syntax' => 'short'],
    'no_unused_imports' => true,
    'ordered_imports' => ['sort_algorithm' => 'alpha'],
    'single_quote' => true,
    'trailing_comma_in_multiline' => ['elements' => ['arrays', 'arguments', 'parameters', 'match']],
    'new_with_parentheses' => ['named_class' => false, 'anonymous_class' => false],
    'concat_space' => ['spacing' => 'none'],
    'not_operator_with_successor_space' => true,
    'braces_position' => ['allow_single_line_empty_anonymous_classes' => true, 'allow_single_line_anonymous_functions' => true],
    'single_line_empty_body' => true,
    'blank_line_before_statement' => ['statements' => ['return']],
    'no_superfluous_phpdoc_tags' => false,
    'class_attributes_separation' => ['elements' => ['method' => 'one']],
    'method_argument_space' => ['on_multiline' => 'ensure_fully_multiline', 'attribute_placement' => 'standalone'],
]);
