# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      class Choice
        # A choice as a row of a sheet of questions (exchange/question_row.rb), both ways.
        module SheetRow
          # Rules in words, and the settings they stand for.
          RULES = { "several" => "several", "part marks" => "partial", "shuffled" => "shuffle", "how sure" => "sure" }.freeze
          LETTERS_ONLY = /\Aletters only(?: a to (?<last>[b-l]))?\z/
          # Where one option is chosen and several are right.
          ANY_ONE = "any one"
          # How many there are, where the last are empty.
          OPTIONS = /\A(?<number>\d+) options\z/

          # @return [Reading] of a Choice; see Prompt.from_row
          def self.read(id, options:, right:, rules:, common:)
            lettered = rules.match(LETTERS_ONLY)
            texts = options[0..[options.rindex { |text| !text.empty? }, last(lettered, rules)].compact.max.to_i]
            places = RightOptions.places(right, texts)
            return Reading.refused("“Right” names #{places}, which isn't an option") if places.is_a?(String)
            return Reading.refused("it has fewer than two options") if texts.length < 2

            prompt(id, texts, places, rules, common.merge("lettered" => lettered ? "1" : "0"))
          end

          # The place of the last option, as far as the rules say it.
          def self.last(lettered, rules)
            return (lettered[:last] || "d").ord - "a".ord if lettered

            told = rules.match(OPTIONS)
            told && (told[:number].to_i - 1).clamp(0, MOST_OPTIONS - 1)
          end
          private_class_method :last

          # @return [Array<String>]
          def self.rules(choice)
            ticked = RULES.filter_map { |words, name| words if choice.settings[name] }
            ticked << "letters only A to #{choice.options.last.letter}" if choice.lettered?
            ticked << ANY_ONE if !choice.several? && choice.settings["keys"].length > 1
            ticked << "#{choice.options.length} options" if !choice.lettered? && choice.options.last.text.empty?
            ticked
          end

          def self.prompt(id, texts, places, rules, common)
            options = Choice.options(texts.map { "" })
            ids = options.map { |option| option["id"] }
            settings = { "options" => options, "made" => texts.length }
            ticks = RULES.to_h { |words, name| [name, rules.include?(words) ? "1" : "0"] }
            ticks["several"] = "1" if places.length > 1 && !rules.include?(ANY_ONE)
            Choice.new(id: id, settings: settings)
                  .edited(common.merge(ticks, "option_ids" => ids, "option_texts" => texts, "keys" => ids.values_at(*places)))
          end
          private_class_method :prompt
        end
      end
    end
  end
end
