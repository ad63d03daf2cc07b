<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Properties that people give objects, beside those of the files: each value with its members, one packed set of object numbers. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('projects', fn (Blueprint $table) => $table->integer('next_value')->default(1));
        Schema::create('own_values', function (Blueprint $table): void {
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->integer('no');
            $table->string('property', 100);
            $table->text('value');
            $table->binary('members')->nullable();
            $table->primary(['project_id', 'no']);
        });
    }

    public function down(): void
    {
        Schema::dropIfExists('own_values');
        Schema::table('projects', fn (Blueprint $table) => $table->dropColumn('next_value'));
    }
};
