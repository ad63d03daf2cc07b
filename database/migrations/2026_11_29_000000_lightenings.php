<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Rungs that were proposed so that a model fits a budget, and what was done with them. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('lightenings', function (Blueprint $table): void {
            $table->id();
            $table->string('key', 20)->unique();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->jsonb('wanted');
            $table->string('state', 10)->default('waiting');
            $table->integer('percent')->default(0);
            $table->boolean('stop')->default(false);
            $table->text('says')->default('');
            $table->jsonb('report')->nullable();
            $table->binary('proposed')->nullable();
            $table->binary('done')->nullable();
            $table->jsonb('was')->nullable();
            $table->timestamp('applied_at')->nullable();
            $table->timestamp('given_back_at')->nullable();
            $table->timestamps();
        });
    }

    public function down(): void
    {
        Schema::drop('lightenings');
    }
};
