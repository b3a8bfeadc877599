# frozen_string_literal: true

require "set"

module Roost
  module Core
    module Tallies
      # Texts grouped when similar (rules.md, tallies): sets of character trigrams of the
      # normalised text, alike when their Jaccard index is at least 0.55, joined transitively;
      # groups by size, each led by the text most like the others. Built on the grouping before,
      # so that only what is new is compared.
      class Grouping
        # lead:: the text that stands for it; texts:: all of them, the lead included; count:: of answers
        Group = Struct.new(:lead, :texts, :count, keyword_init: true)

        ALIKE = 0.55

        # @return [Array<Group>] by size, then in the order in which they came
        attr_reader :groups

        # @param texts [Array<String>] in the order in which they came
        # @param before [Grouping, nil]
        def initialize(texts, before: nil)
          @plains = {}
          @counts = texts.group_by { |text| plains[text] ||= before&.plain(text) || Likeness.plain(text) }
          @trigrams = {}
          @alike = {}
          keep(before) if before
          (counts.keys - trigrams.keys).each { |plain| add(plain) }
          @groups = gather.freeze
          freeze
        end

        # Answers without one like them stand alone.
        def similar? = groups.any? { |group| group.count > 1 }

        protected

        # Normalised text to its trigrams, and to the texts alike with how much.
        attr_reader :trigrams, :alike

        def plain(text) = plains[text]

        private

        attr_reader :counts, :plains

        # What was compared before stands, as far as it is still there.
        def keep(before)
          known = before.trigrams.keys.select { |plain| counts.key?(plain) }
          gone = known.length < before.trigrams.length
          known.each do |plain|
            trigrams[plain] = before.trigrams[plain]
            alike[plain] = gone ? before.alike[plain].select { |other, _| counts.key?(other) } : before.alike[plain].dup
          end
        end

        def add(plain)
          own = Grouping.trigrams(plain)
          alike[plain] = {}
          trigrams.each do |other, theirs|
            index = Grouping.jaccard(own, theirs)
            alike[plain][other] = alike[other][plain] = index if index >= ALIKE
          end
          trigrams[plain] = own
        end

        def gather
          seen = {}
          found = counts.keys.filter_map { |first| group(reach(first, seen)) unless seen[first] }
          found.sort_by.with_index { |group, place| [-group.count, place] }
        end

        # All texts that can be reached from one over texts alike.
        def reach(first, seen)
          seen[first] = true
          joined = [first]
          joined.each { |plain| alike[plain].each_key { |other| joined << other unless seen[other] || !(seen[other] = true) } }
        end

        def group(joined)
          lead = joined.max_by.with_index { |plain, place| [alike[plain].values.sum + counts[plain].length, -place] }
          texts = counts.values_at(lead, *(joined - [lead])).flatten
          Group.new(lead: texts.first, texts: texts, count: texts.length).freeze
        end

        class << self
          # @return [Set<String>] of a text with a space before and after it
          def trigrams(plain)
            padded = " #{plain} "
            padded.length < 3 ? Set[padded] : (0..(padded.length - 3)).to_set { |place| padded[place, 3] }
          end

          # Shared of all; sets whose sizes differ too much aren't compared.
          def jaccard(one, other)
            small, large = [one.length, other.length].minmax
            return 0.0 if small < ALIKE * large

            shared = one.count { |each| other.include?(each) }
            shared.to_f / (one.length + other.length - shared)
          end
        end
      end
    end
  end
end
